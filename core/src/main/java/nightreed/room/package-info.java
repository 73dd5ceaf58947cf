/**
 * The stand-in recording room: simulated players who are recorded, so that there is something to imitate without a
 * microphone. The physics here share no code with the voices that imitate them.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.room.RecordingRoom} takes a request and gives a recording; {@link nightreed.room.SlateBar} and
 * {@link nightreed.room.BuoyBell} say what is struck, {@link nightreed.room.StruckBody} is the physics they share.
 *
 * <h2>What it follows</h2>
 * A. Chaigne, V. Doutaut, "Numerical simulations of xylophones. I. Time-domain modeling of the vibrating bars", J. Acoust.
 * Soc. Am. 101(1), 1997: bar, mallet and contact force F = K δ^(3/2). K. H. Hunt, F. R. E. Crossley, 1975: its losses.
 */
package nightreed.room;
