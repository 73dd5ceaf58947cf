package nightreed.measure;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Locale;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.Movement;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.partial.Partial;
import nightreed.measure.traits.Formant;
import nightreed.measure.traits.SourceWave;
import nightreed.measure.traits.Traits;

/** Measurements as JSON, in the layout that scripts rely on (docs/formats.md). What is not known is null. */
public final class MeasurementJson {
    private MeasurementJson() {}

    /** Indented JSON text. */
    public static String text(Measurement m) {
        return tree(m).toPrettyString();
    }

    public static ObjectNode tree(Measurement m) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        o.put("schema", "measurement-1");
        if (m.typical() != null) {
            ObjectNode typical = o.putObject("typical");
            typical.put("words", m.typical().words());
            m.typical().sources().forEach(typical.putArray("sources")::add);
        }
        o.put("sampleRateHz", m.sampleRateHz());
        o.put("durationSeconds", m.durationSeconds());
        o.put("onsetSeconds", m.onsetSeconds());
        o.put("f0Hz", m.f0Hz());
        o.put("nearestNote", m.nearestNote());
        o.put("centsFromConcert", m.centsFromConcert());
        if (m.series() == null) {
            o.putNull("series");
        } else {
            o.putObject("series")
                    .put("name", m.series().series().name())
                    .put("deviationCents", m.series().deviationCents());
        }
        ArrayNode partials = o.putArray("partials");
        for (Partial p : m.partials()) {
            partials.addObject()
                    .put("frequencyHz", p.frequencyHz())
                    .put("ratio", p.ratio())
                    .put("levelDb", p.levelDb())
                    .put("t60Seconds", p.t60Seconds())
                    .put("reliable", p.reliable())
                    .put("attackSeconds", p.attackSeconds())
                    .put("beatHz", p.beatHz())
                    .put(
                            "t60EarlySeconds",
                            p.stages() == null ? null : (Double) p.stages().earlyT60Seconds())
                    .put(
                            "t60LateSeconds",
                            p.stages() == null ? null : (Double) p.stages().lateT60Seconds())
                    .put(
                            "lateLevelDb",
                            p.stages() == null ? null : (Double) p.stages().lateLevelDb())
                    .put("frequencySeHz", finite(p.frequencySeHz()))
                    .put("t60SeSeconds", p.t60SeSeconds() == null ? null : finite(p.t60SeSeconds()))
                    .put("snrDb", p.snrDb())
                    .put("phaseRad", p.phaseRad());
        }
        ArrayNode rivals = o.putArray("pitchRivals");
        for (StrikeNote n : m.strikeNotes()) {
            rivals.addObject()
                    .put("hz", n.frequencyHz())
                    .put("odds", n.certainty())
                    .put("why", n.why());
        }
        ArrayNode notes = o.putArray("strikeNotes");
        for (StrikeNote n : m.strikeNotes()) {
            notes.addObject()
                    .put("note", n.note())
                    .put("frequencyHz", n.frequencyHz())
                    .put("certainty", n.certainty())
                    .put("why", n.why());
        }
        movement(o, "vibrato", "depthCents", m.held() == null ? null : m.held().vibrato());
        movement(o, "tremolo", "depthDb", m.held() == null ? null : m.held().tremolo());
        movement(
                o,
                "filterMovement",
                "depthOctaves",
                m.held() == null ? null : m.held().filter());
        if (m.brightness() == null) {
            o.putNull("brightness");
        } else {
            o.putObject("brightness")
                    .put("startHz", m.brightness().startHz())
                    .put("endHz", m.brightness().endHz())
                    .put("halfTimeSeconds", m.brightness().halfTimeSeconds());
        }
        o.put("inharmonicityB", m.inharmonicityB());
        o.put("attackSeconds", m.attackSeconds());
        if (m.noise() == null) {
            o.putNull("noise");
        } else {
            o.putObject("noise")
                    .put("levelDb", m.noise().levelDb())
                    .put("t60Seconds", m.noise().t60Seconds())
                    .put("slopeDbPerOctave", m.noise().slopeDbPerOctave())
                    .put("lowHz", m.noise().lowHz())
                    .put("highHz", m.noise().highHz());
        }
        traits(o, m.traits());
        if (m.echo() == null) {
            o.putNull("echo");
        } else {
            o.putObject("echo")
                    .put("delaySeconds", m.echo().delaySeconds())
                    .put("gain", m.echo().gain())
                    .put("feedback", m.echo().feedback())
                    .put("side", m.echo().side());
        }
        if (m.fm() == null) {
            o.putNull("fm");
        } else {
            o.putObject("fm")
                    .put("carrierHz", m.fm().carrierHz())
                    .put("modulatorHz", m.fm().modulatorHz())
                    .put("index", m.fm().index())
                    .put("indexSeconds", m.fm().indexSeconds())
                    .put("t60Seconds", m.fm().t60Seconds())
                    .put("carrierRad", m.fm().carrierRad())
                    .put("modulatorRad", m.fm().modulatorRad());
        }
        if (m.tail() == null) {
            o.putNull("tail");
        } else {
            o.putObject("tail")
                    .put("t60Seconds", m.tail().t60Seconds())
                    .put("t60SeSeconds", m.tail().t60SeSeconds())
                    .put("levelDb", m.tail().levelDb());
        }
        if (m.held() == null) {
            o.putNull("attackBy");
        } else {
            AttackBy by = AttackBy.of(m.held());
            o.putObject("attackBy")
                    .put("verdict", by.verdict().name().toLowerCase(Locale.ROOT))
                    .put("odds", by.odds());
        }
        o.put("loudnessLufs", m.loudnessLufs());
        ArrayNode onsets = o.putArray("noteOnsetsSeconds");
        m.noteOnsets().forEach(onsets::add);
        ArrayNode remarks = o.putArray("remarks");
        m.remarks().forEach(remarks::add);
        return o;
    }

    private static void traits(ObjectNode o, Traits t) {
        ArrayNode formants = o.putArray("formants");
        for (Formant f : t.formants()) {
            formants.addObject()
                    .put("centerHz", f.centreHz())
                    .put("bandwidthHz", f.bandwidthHz())
                    .put("levelDb", f.levelDb())
                    .put("centerSeHz", finite(f.centreSeHz()))
                    .put("certainty", f.certainty());
        }
        o.put("slopeDbPerOctave", t.slopeDbPerOctave());
        ArrayNode sources = o.putArray("sources");
        for (SourceWave s : t.sources()) {
            sources.addObject()
                    .put("wave", s.wave().title())
                    .put("width", s.width())
                    .put("rollOffDbPerOctave", s.rollOffDbPerOctave())
                    .put("cutoffHz", s.cutoffHz())
                    .put("resonanceDb", s.resonanceDb())
                    .put("rmsDb", s.rmsDb())
                    .put("certainty", s.certainty());
        }
        if (t.pluckPoint() == null) {
            o.putNull("pluckPoint");
        } else {
            o.putObject("pluckPoint")
                    .put("share", t.pluckPoint().share())
                    .put("shareSe", finite(t.pluckPoint().shareSe()))
                    .put("certainty", t.pluckPoint().certainty());
        }
        if (t.decayLaw() == null) {
            o.putNull("decayLaw");
        } else {
            o.putObject("decayLaw")
                    .put("t60At1kHzSeconds", t.decayLaw().t60At1kHz())
                    .put("exponent", t.decayLaw().exponent())
                    .put("exponentSe", t.decayLaw().exponentSe())
                    .put("spreadFactor", t.decayLaw().spread());
        }
    }

    private static void movement(ObjectNode o, String name, String depth, Movement m) {
        if (m == null) {
            o.putNull(name);
            return;
        }
        o.putObject(name)
                .put("rateHz", m.rateHz())
                .put("rateSeHz", m.rateSeHz())
                .put(depth, m.depth())
                .put("depthSe", m.depthSe())
                .put("delaySeconds", m.delaySeconds())
                .put("rampSeconds", m.rampSeconds())
                .put("shape", m.shape().title())
                .put("shapeOdds", m.shapeOdds());
    }

    private static Double finite(double v) {
        return Double.isFinite(v) ? v : null;
    }
}
