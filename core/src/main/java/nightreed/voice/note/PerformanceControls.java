package nightreed.voice.note;

import nightreed.recipe.part.Common;

/** What the player's other hand does, and LFOs that all notes share. Wheels glide, so that their steps are not heard. */
public final class PerformanceControls {
    private static final double GLIDE_SECONDS = 0.005;

    private double bend;
    private double bendWanted;
    private double wheel;
    private double wheelWanted;
    private double cents;
    private double firstCycles;
    private double secondCycles;

    /** Pitch wheel, -1 to 1. */
    public void bendTo(double value) {
        bendWanted = Math.max(-1, Math.min(1, value));
    }

    /** Modulation wheel, 0 to 1. */
    public void wheelTo(double value) {
        wheelWanted = Math.max(0, Math.min(1, value));
    }

    /** How far all notes are off [cents]. */
    public void tuneTo(double value) {
        cents = value;
    }

    double cents() {
        return cents;
    }

    /** Moves on by so many seconds. */
    public void advance(Common c, double dt) {
        double near = Math.exp(-dt / GLIDE_SECONDS);
        bend = settled(bendWanted + (bend - bendWanted) * near, bendWanted);
        wheel = settled(wheelWanted + (wheel - wheelWanted) * near, wheelWanted);
        firstCycles += c.first() == null ? 0 : dt * c.first().hz(c.tempoBpm());
        secondCycles += c.second() == null ? 0 : dt * c.second().hz(c.tempoBpm());
    }

    private static double settled(double v, double wanted) {
        return Math.abs(v - wanted) < 1e-6 ? wanted : v;
    }

    public double bend() {
        return bend;
    }

    public double wheel() {
        return wheel;
    }

    double firstCycles() {
        return firstCycles;
    }

    double secondCycles() {
        return secondCycles;
    }
}
