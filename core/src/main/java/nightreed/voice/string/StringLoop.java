package nightreed.voice.string;

/**
 * One loop at work: delay line, tuning all-pass, stiffness, loss. State in double. Only the constructor allocates.
 */
public final class StringLoop {
    /** Samples in which one delay fades into another. */
    private static final int FADE = 48;

    /** Samples after which a tuning all-pass has forgotten where it began. */
    private static final int WARM = 24;

    /** Far below anything a sound card can give, and far above denormal numbers [full scale = 1]. */
    private static final double SUNK = 1e-25;

    private final double[] line;
    private final int mask;
    private int at; // where the next sample is written
    private int whole;
    private double gain;
    private final double[] b0 = new double[LossDesign.SECTIONS];
    private final double[] b1 = new double[LossDesign.SECTIONS];
    private final double[] a1 = new double[LossDesign.SECTIONS];
    private final double[] lossState = new double[LossDesign.SECTIONS]; // last samples out of the loss sections
    private final double[] lossInput = new double[LossDesign.SECTIONS]; // and into them
    private int sections;
    private int stiffSections;
    private final double[] stiff1 = new double[StiffnessDesign.SECTIONS];
    private final double[] stiff2 = new double[StiffnessDesign.SECTIONS];
    // the last two samples into each section of the stiffness; what leaves one is what enters the next
    private final double[] stiffLast = new double[StiffnessDesign.SECTIONS + 1];
    private final double[] stiffBefore = new double[StiffnessDesign.SECTIONS + 1];
    private final AllPass now = new AllPass();
    private final AllPass before = new AllPass(); // of the delay that is faded out
    private int wholeBefore;
    private int fade; // samples left of that
    private boolean running;

    /** @param longest most samples once round */
    public StringLoop(int longest) {
        int size = Integer.highestOneBit(Math.max(16, longest + 4)) << 1;
        line = new double[size];
        mask = size - 1;
    }

    /** Back to rest. */
    public void clear() {
        java.util.Arrays.fill(line, 0);
        java.util.Arrays.fill(lossState, 0);
        java.util.Arrays.fill(lossInput, 0);
        java.util.Arrays.fill(stiffLast, 0);
        java.util.Arrays.fill(stiffBefore, 0);
        now.clear();
        fade = 0;
        running = false;
    }

    /** Takes over filters and delay; what is in the loop stays. */
    public void take(LoopDesign d) {
        take(d, 0);
    }

    /** The same, less some samples of the delay that lie elsewhere. */
    void take(LoopDesign d, int less) {
        LossDesign loss = d.loss;
        System.arraycopy(loss.b0, 0, b0, 0, loss.sections);
        System.arraycopy(loss.b1, 0, b1, 0, loss.sections);
        System.arraycopy(loss.a1, 0, a1, 0, loss.sections);
        sections = loss.sections;
        gain = loss.gain;
        StiffnessDesign stiff = d.stiff;
        System.arraycopy(stiff.a1, 0, stiff1, 0, stiff.sections);
        System.arraycopy(stiff.a2, 0, stiff2, 0, stiff.sections);
        for (int k = stiffSections + 1; k <= stiff.sections; k++) { // a new section goes on from what left the last one
            stiffLast[k] = stiffLast[stiffSections];
            stiffBefore[k] = stiffBefore[stiffSections];
        }
        stiffSections = stiff.sections;
        retune(d, less);
    }

    /** Takes over the delay only. */
    public void retune(LoopDesign d) {
        retune(d, 0);
    }

    /**
     * Takes over the delay, less some samples that lie elsewhere. While the loop sounds the old delay fades into the new one:
     * a jump to another whole number of samples would be heard as a click.
     */
    void retune(LoopDesign d, int less) {
        int next = Math.max(1, Math.min(d.whole, line.length - WARM - 2) - less);
        boolean same = next == whole && now.same(d);
        if (same) {
            return;
        }
        if (running) {
            before.take(now);
            wholeBefore = whole;
            fade = FADE;
        }
        whole = next;
        now.set(d);
        if (running) { // lets the new all-pass forget where it began, on what is in the line already
            now.clear();
            for (int i = -WARM; i < 0; i++) {
                now.next(line[(at - whole + i) & mask]);
            }
        }
    }

    /** Samples that may be pulled before what they become has to be pushed; at least 1. */
    public int room() {
        return fade > 0 ? Math.min(whole, wholeBefore) : whole;
    }

    /**
     * What comes round next, after all filters.
     *
     * @param y receives {@code n} samples
     * @param n at most {@link #room}
     */
    public void pull(double[] y, int n) {
        int start = (at - whole) & mask;
        int straight = Math.min(n, line.length - start);
        System.arraycopy(line, start, y, 0, straight);
        System.arraycopy(line, 0, y, straight, n - straight);
        if (now.third && stiffSections == 0 && sections == 1 && fade == 0) {
            tuneAndLose(y, n);
            return;
        }
        for (int i = 0; i < n; i++) {
            y[i] = now.next(y[i]);
            if (fade > 0) {
                double old = before.next(line[(at - wholeBefore + i) & mask]);
                y[i] += fade * (old - y[i]) / (FADE + 1);
                fade--;
            }
        }
        stiffen(y, n);
        for (int k = 0; k < sections; k++) {
            double x1 = lossInput[k];
            double v1 = lossState[k];
            double c0 = b0[k];
            double c1 = b1[k];
            double d1 = a1[k];
            for (int i = 0; i < n; i++) {
                double x = y[i];
                double v = (c0 * x + c1 * x1) - d1 * v1;
                x1 = x;
                v1 = v;
                y[i] = v;
            }
            lossInput[k] = x1;
            lossState[k] = v1;
        }
        for (int i = 0; i < n; i++) {
            y[i] *= gain;
        }
    }

    /** Two sections side by side, as neither waits for what the other does with the same sample before. */
    private void stiffen(double[] y, int n) {
        if (stiffSections == 0) {
            return;
        }
        int k = 0;
        for (; k + 1 < stiffSections; k += 2) {
            double c1 = stiff1[k];
            double c2 = stiff2[k];
            double d1 = stiff1[k + 1];
            double d2 = stiff2[k + 1];
            double u1 = stiffLast[k];
            double u2 = stiffBefore[k];
            double v1 = stiffLast[k + 1];
            double v2 = stiffBefore[k + 1];
            double w1 = stiffLast[k + 2];
            double w2 = stiffBefore[k + 2];
            for (int i = 0; i < n; i++) {
                double u = y[i];
                double v = (c2 * (u - v2) + (c1 * u1 + u2)) - c1 * v1;
                double w = (d2 * (v - w2) + (d1 * v1 + v2)) - d1 * w1;
                u2 = u1;
                u1 = u;
                v2 = v1;
                v1 = v;
                w2 = w1;
                w1 = w;
                y[i] = w;
            }
            stiffLast[k] = u1;
            stiffBefore[k] = u2;
            stiffLast[k + 1] = v1;
            stiffBefore[k + 1] = v2;
            if (k + 2 == stiffSections) {
                stiffLast[k + 2] = w1;
                stiffBefore[k + 2] = w2;
            }
        }
        if (k < stiffSections) {
            double c1 = stiff1[k];
            double c2 = stiff2[k];
            double u1 = stiffLast[k];
            double u2 = stiffBefore[k];
            double v1 = stiffLast[k + 1];
            double v2 = stiffBefore[k + 1];
            for (int i = 0; i < n; i++) {
                double u = y[i];
                double v = (c2 * (u - v2) + (c1 * u1 + u2)) - c1 * v1;
                u2 = u1;
                u1 = u;
                v2 = v1;
                v1 = v;
                y[i] = v;
            }
            stiffLast[k] = u1;
            stiffBefore[k] = u2;
            stiffLast[k + 1] = v1;
            stiffBefore[k + 1] = v2;
        }
    }

    /**
     * The usual loop in one go. Of each recurrence only one product waits for the sample before; the rest is ready by then.
     */
    private void tuneAndLose(double[] y, int n) {
        AllPass p = now;
        double x1 = p.s1;
        double x2 = p.s2;
        double x3 = p.s3;
        double y1 = p.r1;
        double y2 = p.r2;
        double y3 = p.r3;
        double c1 = p.t1;
        double c2 = p.t2;
        double c3 = p.t3;
        double v1 = lossState[0]; // last sample out of the loss
        double l0 = b0[0];
        double l1 = b1[0];
        double d1 = a1[0];
        double g = gain;
        for (int i = 0; i < n; i++) {
            double x = y[i];
            double w = (c3 * x + c2 * x1) + (c1 * x2 + x3) - (c2 * y2 + c3 * y3);
            double out = w - c1 * y1;
            x3 = x2;
            x2 = x1;
            x1 = x;
            y3 = y2;
            y2 = y1;
            y1 = out;
            double v = (l0 * out + l1 * y2) - d1 * v1; // y2 is the all-pass's last output by now
            v1 = v;
            y[i] = v * g;
        }
        p.s1 = x1;
        p.s2 = x2;
        p.s3 = x3;
        p.r1 = y1;
        p.r2 = y2;
        p.r3 = y3;
        lossState[0] = v1;
        lossInput[0] = y1;
    }

    /** The tuning all-pass, of third order, or of first where there is no room for that. */
    private static final class AllPass {
        private double t1;
        private double t2;
        private double t3;
        private boolean third;
        private double s1; // last samples into it
        private double s2;
        private double s3;
        private double r1; // and out of it
        private double r2;
        private double r3;

        boolean same(LoopDesign d) {
            return d.thiran[0] == t1 && d.thiran[1] == t2 && d.thiran[2] == t3 && third == (d.order == 3);
        }

        void set(LoopDesign d) {
            t1 = d.thiran[0];
            t2 = d.thiran[1];
            t3 = d.thiran[2];
            third = d.order == 3;
        }

        void take(AllPass o) {
            t1 = o.t1;
            t2 = o.t2;
            t3 = o.t3;
            third = o.third;
            s1 = o.s1;
            s2 = o.s2;
            s3 = o.s3;
            r1 = o.r1;
            r2 = o.r2;
            r3 = o.r3;
        }

        void clear() {
            s1 = 0;
            s2 = 0;
            s3 = 0;
            r1 = 0;
            r2 = 0;
            r3 = 0;
        }

        double next(double x) {
            double out =
                    third ? (t3 * x + t2 * s1) + (t1 * s2 + s3) - (t2 * r2 + t3 * r3) - t1 * r1 : t1 * x + s1 - t1 * r1;
            s3 = s2;
            s2 = s1;
            s1 = x;
            r3 = r2;
            r2 = r1;
            r1 = out;
            return out;
        }
    }

    /** Writes what goes on round: as many samples as were pulled. */
    public void push(double[] x, int n) {
        int straight = Math.min(n, line.length - at);
        System.arraycopy(x, 0, line, at, straight);
        System.arraycopy(x, straight, line, 0, n - straight);
        at = (at + n) & mask;
        running = true;
    }

    /**
     * Ends a tail that has sunk into denormal numbers, which are slow on some processors. The states of the filters tell it
     * only for what is coming out just now: on low keys a whole push may still be in the line.
     */
    public void flush() {
        double sum = Math.abs(now.r1) + Math.abs(now.s1);
        for (double v : lossState) {
            sum += Math.abs(v);
        }
        if (sum < SUNK && sum > 0 && isLineSunk()) {
            clear();
        }
    }

    private boolean isLineSunk() {
        int longest = Math.max(whole, fade > 0 ? wholeBefore : 0);
        for (int i = 1; i <= longest; i++) {
            if (Math.abs(line[(at - i) & mask]) >= SUNK) {
                return false;
            }
        }
        return true;
    }
}
