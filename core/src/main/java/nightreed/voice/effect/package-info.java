/**
 * What the sound of a recipe passes on its way out: drive, chorus, tremolo, delay, reverb, tone.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.effect.EffectChain} holds them in their order; each is one small class.
 *
 * <h2>What it follows</h2>
 * J.-M. Jot, A. Chaigne, "Digital delay networks for designing artificial reverberators", 90th AES Convention, 1991: the
 * reverb. J. Dattorro, "Effect design, part 2: delay-line modulation and chorus", JAES 45(10), 1997.
 */
package nightreed.voice.effect;
