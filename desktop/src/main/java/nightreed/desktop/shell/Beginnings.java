package nightreed.desktop.shell;

import nightreed.desktop.page.WelcomePage;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.stage.brief.BriefView;
import nightreed.desktop.workspace.Workspace;

/** What the welcome page leads to. */
record Beginnings(Shell shell, Workspace bench) implements WelcomePage.Ways {
    @Override
    public void recording() {
        shell.leavePage();
        shell.go(WorkStage.BRIEF);
    }

    @Override
    public void room() {
        recording();
        ((BriefView) shell.view(WorkStage.BRIEF)).focusRoom();
    }

    @Override
    public void demo() {
        shell.leavePage();
        bench.openDemo();
    }
}
