/**
 * The six stages of the work, one view each.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.stage.WorkStage} names them and their order; {@link nightreed.desktop.stage.StageView} is what a
 * view has to give: a centre and its margin notes.
 */
package nightreed.desktop.stage;
