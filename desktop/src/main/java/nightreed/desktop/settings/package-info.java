/**
 * What a user has set: {@link nightreed.desktop.settings.Preferences} is the value, {@link
 * nightreed.desktop.settings.PreferenceStore} keeps it in a file and tells the window when it changes. {@link
 * nightreed.desktop.settings.Places} says where files of the program's own are.
 */
package nightreed.desktop.settings;
