package nightreed.voice.effect;

import nightreed.recipe.part.Effects;
import nightreed.voice.note.Loudness;
import nightreed.voice.note.Note;

/** Effects of one recipe. One thread at a time; only the constructor allocates. */
public final class EffectChain {
    private static final double SILENT = 1e-8;

    /**
     * Longer than anything but the delay's echo stays in a line: after so much silence in and out, and the time of that echo,
     * there is nothing left to come [s].
     */
    private static final double EMPTY_SECONDS = 0.5;

    private final double fs;
    private final DriveEffect drive;
    private final ChorusEffect chorus;
    private final TremoloEffect tremolo;
    private final DelayEffect delay;
    private final ReverbEffect reverb;
    private final ToneEffect tone;
    private Effects now = Effects.NONE;
    private double echoSeconds; // within which an echo of the delay comes
    private boolean resting;
    private final Loudness loudness;
    private long silence = Long.MAX_VALUE / 2; // samples since something went in or came out

    /** One that can do whatever comes. */
    public EffectChain(double sampleRateHz) {
        this(sampleRateHz, null);
    }

    /** One for these effects and no others, which is quickly made. */
    public static EffectChain only(Effects effects, double sampleRateHz) {
        return new EffectChain(sampleRateHz, effects);
    }

    /** @param only the effects it can do; null for all */
    private EffectChain(double sampleRateHz, Effects only) {
        boolean all = only == null;
        fs = sampleRateHz;
        loudness = new Loudness(sampleRateHz);
        drive = all || only.drive() != null ? new DriveEffect() : null;
        chorus = all || only.chorus() != null ? new ChorusEffect(sampleRateHz) : null;
        tremolo = all || only.tremolo() != null ? new TremoloEffect(sampleRateHz) : null;
        delay = all || only.delay() != null ? new DelayEffect(sampleRateHz) : null;
        reverb = all || only.reverb() != null ? new ReverbEffect(sampleRateHz) : null;
        tone = all || only.tone() != null ? new ToneEffect(sampleRateHz) : null;
    }

    /** Looks at what is wanted; to be called every {@link Note#STEP} samples. */
    public void step(Effects e, double bpm) {
        now = e;
        loudness.step();
        if (e.drive() != null) {
            drive.step(e.drive());
        }
        if (e.chorus() != null) {
            chorus.step(e.chorus());
        }
        if (e.tremolo() != null) {
            tremolo.step(e.tremolo());
        }
        if (e.delay() != null) {
            echoSeconds = delay.step(e.delay(), bpm);
        }
        if (e.reverb() != null) {
            reverb.step(e.reverb());
        }
        if (e.tone() != null) {
            tone.step(e.tone());
        }
    }

    /** Empties all lines. */
    public void clear() {
        clearLines();
        loudness.start();
        silence = Long.MAX_VALUE / 2;
    }

    private void clearLines() {
        if (drive != null) {
            drive.clear();
        }
        if (chorus != null) {
            chorus.clear();
        }
        if (delay != null) {
            delay.clear();
        }
        if (reverb != null) {
            reverb.clear();
        }
        if (tone != null) {
            tone.clear();
        }
    }

    /** Whether something may still come out after the last note. */
    public boolean sounding() {
        return (now.delay() != null || now.reverb() != null) && loudness.meanSquare() > SILENT * SILENT;
    }

    /** Works on {@code n} samples of both sides in place. */
    public void process(double[] left, double[] right, int n) {
        if (!now.any()) {
            return;
        }
        silence = isAtMost(0, left, n) && isAtMost(0, right, n) ? silence + n : 0;
        boolean rests = silence > (EMPTY_SECONDS + echoSeconds) * fs; // silence goes through all of them as it is
        if (rests && !resting) {
            clearLines(); // or what is left in them would be heard when a time or a mix is changed later
        }
        resting = rests;
        if (now.drive() != null && !rests) {
            drive.process(left, right, n);
        }
        if (now.chorus() != null) {
            if (rests) {
                chorus.rest(n);
            } else {
                chorus.process(left, right, n);
            }
        }
        if (now.tremolo() != null) {
            if (rests) {
                tremolo.rest(n);
            } else {
                tremolo.process(left, right, n);
            }
        }
        if (now.delay() != null && !rests) {
            delay.process(left, right, n);
        }
        if (now.reverb() != null) {
            if (rests) {
                reverb.rest(n);
            } else {
                reverb.process(left, right, n);
            }
        }
        if (now.tone() != null && !rests) {
            tone.process(left, right, n);
        }
        loudness.add(left, 0, n);
        loudness.add(right, 0, n);
        silence = isAtMost(SILENT, left, n) && isAtMost(SILENT, right, n) ? silence : 0;
    }

    private static boolean isAtMost(double most, double[] x, int n) {
        for (int i = 0; i < n; i++) {
            if (Math.abs(x[i]) > most) {
                return false;
            }
        }
        return true;
    }
}
