package nightreed.voice.explain;

import java.util.List;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.voice.formant.BankResponse;

/** Response of the bank at its bands and over the spectrum, and which notes it favours. */
final class FormantTables {
    private static final String[] CLASSES = {"C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"};
    private static final double STEP = Math.pow(2, 1 / 6.0);

    private FormantTables() {}

    static List<Table> of(FormantRecipe r, double hz) {
        BankResponse response = new BankResponse(r, Arithmetic.SAMPLE_RATE_HZ);
        Rows bands = new Rows(
                "bands",
                "number .0",
                "centre [Hz] .0",
                "width [Hz] .0",
                "level [dB] .1",
                "noise share .2",
                "bank at the centre [dB] .1",
                "rings for (T60) [s] .3");
        double factor = Math.pow(2, r.shiftCents() / 1200);
        for (int i = 0; i < r.bands().size(); i++) {
            FormantBand b = r.bands().get(i);
            bands.add(
                    i + 1.0,
                    b.centreHz() * factor,
                    b.widthHz() * factor / r.qFactor(),
                    b.levelDb(),
                    b.noiseShare(),
                    response.db(b.centreHz() * factor),
                    2.199 * r.qFactor() / (b.widthHz() * factor));
        }
        if (hz < 20) {
            bands.say("A source of %.1f Hz is heard as single pulses.", hz);
        }
        Rows curve = new Rows("response", "frequency [Hz] .1", "gain [dB] .1");
        for (double f = 50; f < 18_000; f *= STEP) {
            curve.add(f, response.db(f));
        }
        Rows bias = new Rows("favoured notes", "pitch class (0 = C) .0", "against the mean [dB] .1");
        double[] b = response.bias(48);
        int most = 0;
        int least = 0;
        for (int k = 0; k < 12; k++) {
            bias.add((double) k, b[k]);
            most = b[k] > b[most] ? k : most;
            least = b[k] < b[least] ? k : least;
        }
        bias.say(
                "From C3 up the bank favours %s over %s by %.1f dB.",
                CLASSES[most], CLASSES[least], b[most] - b[least]);
        return List.of(bands.done(), curve.done(), bias.done());
    }
}
