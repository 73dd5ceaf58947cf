package nightreed.device;

import nightreed.sound.Clip;

/** Plays a recording or its imitation from the start, and swaps between them while it plays. */
final class AbPlayer {
    private final int sampleRateHz;
    private volatile Programme programme = new Programme(new float[2][0], new float[2][0]);
    private volatile boolean imitationHeard;
    private volatile boolean looping;
    private volatile Start start;
    private volatile int positionSeen = -1;

    // the audio thread's own
    private Start running;
    private int position = -1;
    private double swap; // 0 recording, 1 imitation; glides
    private double envelope; // so that stopping does not click

    /** Both at the output's rate, made equally loud; [left, right][sample]. */
    private record Programme(float[][] recording, float[][] imitation) {}

    /** A wish to play from the start, or to stop. @param instead what is played in place of the programme, or null */
    private record Start(boolean play, Programme instead) {}

    AbPlayer(int sampleRateHz) {
        this.sampleRateHz = sampleRateHz;
    }

    void load(Clip recording, Clip imitation, double gainDb) {
        float[][] r = sides(recording);
        float[][] i = sides(imitation == null ? null : imitation.scaled(Math.pow(10, gainDb / 20)));
        programme = new Programme(r, i);
    }

    /** Left and right of a clip: its first two channels, or its only one on both sides. */
    private float[][] sides(Clip clip) {
        if (clip == null) {
            return new float[2][0];
        }
        Clip c = clip.at(sampleRateHz);
        float[] first = c.channel(0);
        return new float[][] {first, c.channelCount() > 1 ? c.channel(1) : first};
    }

    void play() {
        start = new Start(true, null);
    }

    void audition(Clip clip) {
        start = new Start(true, new Programme(sides(clip), new float[2][0]));
    }

    void stop() {
        start = new Start(false, null);
    }

    void hearImitation(boolean imitation) {
        imitationHeard = imitation;
    }

    boolean imitationHeard() {
        return imitationHeard;
    }

    void loop(boolean on) {
        looping = on;
    }

    /** Place in the recording [samples], or -1 if it is not playing. */
    int position() {
        return positionSeen;
    }

    /** Adds the next samples; audio thread. */
    void render(float[] left, float[] right, int n) {
        Start wish = start;
        if (wish != running) {
            running = wish;
            if (wish.play()) {
                position = 0;
            }
        }
        boolean on = running != null && running.play();
        boolean other = running != null && running.instead() != null;
        Programme p = other ? running.instead() : programme;
        int recorded = p.recording[0].length;
        int imitated = p.imitation[0].length;
        int length = Math.max(recorded, imitated);
        double fade = 1 - Math.exp(-1 / (0.003 * sampleRateHz));
        double cross = 1 - Math.exp(-1 / (0.006 * sampleRateHz));
        for (int i = 0; i < n && position >= 0; i++) {
            if (position >= length) {
                position = looping && on && !other && length > 0 ? 0 : -1;
                if (position < 0) {
                    envelope = 0; // and the wish stays answered until there is another
                    break;
                }
            }
            swap += ((imitationHeard && !other ? 1 : 0) - swap) * cross;
            envelope += ((on ? 1 : 0) - envelope) * fade;
            double r = position < recorded ? envelope * (1 - swap) : 0;
            double m = position < imitated ? envelope * swap : 0;
            int at = position;
            left[i] += (float) ((r > 0 ? r * p.recording[0][at] : 0) + (m > 0 ? m * p.imitation[0][at] : 0));
            right[i] += (float) ((r > 0 ? r * p.recording[1][at] : 0) + (m > 0 ? m * p.imitation[1][at] : 0));
            position++;
            if (!on && envelope < 1e-4) {
                position = -1;
            }
        }
        positionSeen = position;
    }
}
