/**
 * Strings and tuned loops: a delay line closed through a loss filter.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.string.LoopDesign} is the arithmetic: which delay and which filters give the pitch and the decays
 * asked for, with {@link nightreed.voice.string.LossDesign} and {@link nightreed.voice.string.StiffnessDesign} as its parts; {@link nightreed.voice.string.StringLoop} is the loop that runs with them, {@link
 * nightreed.voice.string.StringSound} one note; {@link nightreed.voice.string.LoopTable} tells the arithmetic to people. {@link
 * nightreed.voice.string.StringModes} and {@link nightreed.voice.string.StringStrike} foretell its partials without a render.
 *
 * <h2>What it follows</h2>
 * K. Karplus, A. Strong, "Digital synthesis of plucked-string and drum timbres", and D. A. Jaffe, J. O. Smith, "Extensions
 * of the Karplus-Strong plucked-string algorithm", Computer Music Journal 7(2), 1983; V. Välimäki et al., "Physical modeling
 * of plucked string instruments with application to real-time sound synthesis", JAES 44(5), 1996: loss filters by weighted
 * fit; T. Laakso et al., "Splitting the unit delay", IEEE Signal Processing Magazine 13(1), 1996: Thiran's all-pass; J. S. Abel, J. O.
 * Smith, "Robust design of very high-order allpass dispersion filters", DAFx 2006: stiffness; G. Weinreich, JASA 62(6), 1977: two strings at one bridge; M. E. McIntyre, R. T.
 * Schumacher, J. Woodhouse, JASA 74(5), 1983, and J. O. Smith, ICMC 1986: the bow; R. Pitteroff, J. Woodhouse, Acustica 84,
 * 1998: hair that yields.
 *
 * <h2>Where it departs, and conventions</h2>
 * Decays are asked for as T60 over frequency and the filters solved for them, since T60 is what is measured. The pitch asked
 * for is that of the string without stiffness. Delays in samples, fractions allowed.
 */
package nightreed.voice.string;
