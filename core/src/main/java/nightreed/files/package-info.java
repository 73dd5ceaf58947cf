/**
 * Files and their names, as far as no other room knows better.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.files.OutputFile} writes a result without harm to what is there; {@link nightreed.files.Shown} makes a name
 * from outside fit to be read in a message.
 */
package nightreed.files;
