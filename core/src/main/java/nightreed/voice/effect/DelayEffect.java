package nightreed.voice.effect;

import nightreed.recipe.part.Effects.Delay;

/** Repeats, from one side or from both in turn. A changed time glides, as that of a tape would. */
final class DelayEffect {
    private final double fs;
    private final Line left;
    private final Line right;
    private double samples;
    private double wanted;
    private double feedback;
    private double mix;
    private double panLeft = 1;
    private double panRight = 1;
    private boolean pingPong;
    private double pole;
    private double lowLeft;
    private double lowRight;

    DelayEffect(double fs) {
        this.fs = fs;
        left = new Line((int) (Delay.MOST_SECONDS * fs) + 8);
        right = new Line((int) (Delay.MOST_SECONDS * fs) + 8);
    }

    /** @return within which an echo comes [s] */
    double step(Delay d, double bpm) {
        wanted = Math.max(3, d.seconds(bpm) * fs);
        if (samples == 0) {
            samples = wanted;
        }
        feedback = d.feedback();
        mix = d.mix();
        double angle = (d.side() + 1) * Math.PI / 4;
        panLeft = Math.sqrt(2) * Math.cos(angle);
        panRight = Math.sqrt(2) * Math.sin(angle);
        pingPong = d.pingPong();
        pole = Math.exp(-2 * Math.PI * Math.min(d.highCutHz(), 0.45 * fs) / fs);
        return Math.max(samples, wanted) / fs;
    }

    void clear() {
        left.clear();
        right.clear();
        lowLeft = 0;
        lowRight = 0;
    }

    void process(double[] l, double[] r, int n) {
        double near = 1 - Math.exp(-1 / (0.08 * fs));
        for (int i = 0; i < n; i++) {
            samples += Math.abs(wanted - samples) < 1e-4 ? wanted - samples : (wanted - samples) * near;
            lowLeft = left.get(samples) * (1 - pole) + pole * lowLeft;
            lowRight = right.get(samples) * (1 - pole) + pole * lowRight;
            lowLeft = Math.abs(lowLeft) < 1e-20 ? 0 : lowLeft;
            lowRight = Math.abs(lowRight) < 1e-20 ? 0 : lowRight;
            double mono = 0.5 * (l[i] + r[i]);
            if (pingPong) { // the first repeat comes from its side, the next from the other
                boolean rightFirst = panRight > panLeft;
                left.put((rightFirst ? 0 : mono) + feedback * lowRight);
                right.put((rightFirst ? mono : 0) + feedback * lowLeft);
            } else {
                left.put(panLeft * mono + feedback * lowLeft);
                right.put(panRight * mono + feedback * lowRight);
            }
            l[i] += mix * lowLeft;
            r[i] += mix * lowRight;
        }
    }
}
