/** What it is for, and the recording: a file, the microphone or the recording room. Start with {@link nightreed.desktop.stage.brief.BriefView}. */
package nightreed.desktop.stage.brief;
