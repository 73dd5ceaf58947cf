/**
 * Nonlinear least squares: one solver for every fit of the program.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.optim.LevenbergMarquardt} minimises the sum of squares of a {@link
 * nightreed.optim.LeastSquaresProblem} and returns a {@link nightreed.optim.Solution}: the point, its cost, why it ended, and the
 * covariance. {@link nightreed.optim.LevenbergMarquardt.Options} holds every tolerance by name.
 *
 * <h2>What it follows</h2>
 * K. Levenberg, "A method for the solution of certain non-linear problems in least squares", Quarterly of Applied Mathematics
 * 2, 1944; D. W. Marquardt, "An algorithm for least-squares estimation of nonlinear parameters", SIAM Journal 11, 1963: damped
 * Gauss-Newton steps. C. G. Broyden, "A class of methods for solving nonlinear simultaneous equations", Mathematics of
 * Computation 19, 1965: the optional update of the Jacobian.
 *
 * <h2>Where it departs, and conventions</h2>
 * Steps are limited per parameter instead of by a trust region: a start is chosen with care, and the search must stay in its basin. Arrays are
 * {@code [parameter][residual]}. Parameters have no unit; callers scale them so that 1 is a large change.
 */
package nightreed.optim;
