package nightreed.desktop.stage.build;

import javafx.scene.Node;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.stage.SimplerPanel;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.compare.Comparison;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.ResonatorRecipe;

/** Build: the recipe on rulers, under the picture of what it makes. */
public final class BuildView implements StageView {
    private final VBox centre = new VBox(8);
    private final Notes margin = new Notes(6);
    private final BuildHead head;
    private final Reedbed bed;
    private final SimplerPanel simpler;
    private final ModeRulers modes;
    private final GroupedRulers grouped;
    private final BuildNotes notes;
    private final WhatItDoes does;
    private AnalysedSound shownRecording;
    private AnalysedSound shownImitation;
    private Comparison shownComparison;

    /** @param editMachine shows what the machine can do, to change it */
    public BuildView(Workspace bench, Runnable editMachine) {
        Runnable again = () -> show(bench.state());
        MachineMenu machine = new MachineMenu(bench, editMachine);
        head = new BuildHead(bench, machine, again);
        bed = new Reedbed(bench.selectedProperty());
        simpler = new SimplerPanel(bench, "build-simpler");
        modes = new ModeRulers(bench, again);
        grouped = new GroupedRulers(bench);
        notes = new BuildNotes(bench, margin, machine, again, this::reveal);
        does = new WhatItDoes(bed::setModel, again);
        bench.askedProperty().addListener((o, was, p) -> {
            if (p != null) {
                bench.askedProperty().set(null);
                does.begin(bench.state(), p);
            }
        });
        bench.fitting().togetherProperty().addListener((o, was, is) -> again.run());
        bench.fitting().pricesProperty().addListener((o, was, is) -> again.run());
        bench.fitting().machineProperty().addListener((o, was, is) -> again.run());
        bench.fitting().rankingProperty().addListener((o, was, is) -> again.run());
        bed.setEmptyText("Nothing sounds yet: bring a recording in on the Brief stage, or choose a method.");
        bed.setId("build-bed");
        bed.setMinHeight(150);
        bed.setPrefHeight(250);
        VBox.setVgrow(bed, Priority.ALWAYS);
        centre.getChildren().addAll(head, bed, simpler, modes, grouped);
    }

    @Override
    public Node centre() {
        return centre;
    }

    @Override
    public Notes margin() {
        return margin;
    }

    @Override
    public void fill(WorkspaceState s) {
        head.fill(s);
        simpler.fill(s);
        boolean few = s.recipe() == null
                || s.recipe() instanceof ResonatorRecipe && s.recording() != null && !head.isAllValues();
        shown(modes, few);
        shown(grouped, !few);
        bed(s);
        if (s.recipe() == null) {
            modes.clear();
            notes.nothing(s);
        } else if (few) {
            ResonatorRecipe r = (ResonatorRecipe) s.recipe();
            modes.fill(s, r);
            notes.modes(s, r);
        } else {
            grouped.fill(s);
            notes.method(s);
        }
    }

    /** Brings the ruler of a value into view. */
    private void reveal(String parameterId) {
        head.showAllValues();
        grouped.reveal(parameterId);
    }

    private static void shown(Node n, boolean is) {
        n.setVisible(is);
        n.setManaged(is);
    }

    /** The reeds, or for a while what a value does to them. */
    private void bed(WorkspaceState s) {
        boolean moved = does.moving();
        does.follow(s);
        does.notes(margin);
        if (does.moving()) {
            shownComparison = null; // the reeds are shown as they are again when it ends
        } else if (moved
                || s.recording() != shownRecording
                || s.comparison() != shownComparison
                || s.recording() == null && s.imitation() != shownImitation) {
            shownImitation = s.imitation();
            shownRecording = s.recording();
            shownComparison = s.comparison();
            bed.setModel(
                    s.recording() == null
                            ? BedModel.by(s.imitation(), s.snapshot().patch())
                            : BedModel.of(s.recording().measurement(), s.comparison(), Axis.Kind.RATIO));
        }
    }
}
