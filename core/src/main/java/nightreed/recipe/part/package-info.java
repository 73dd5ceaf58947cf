/**
 * What recipes are made of, and how a value is described.
 *
 * <h2>Where to start</h2>
 * A value is described once, where it is declared, by {@link nightreed.recipe.part.ParameterSpec}; {@link
 * nightreed.recipe.part.ParameterAccess} checks, reads and moves it, and {@link nightreed.recipe.part.Parameter} is what rulers,
 * sheets and moves see of it. {@link nightreed.recipe.part.Common} holds what every method can have.
 *
 * <h2>Conventions</h2>
 * Units are in the component's name and in its description. A part that may be left out is null. Envelopes and LFOs are
 * pure functions of time, so that drawings and voices cannot differ.
 */
package nightreed.recipe.part;
