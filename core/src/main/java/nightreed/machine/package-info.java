/**
 * What a synthesiser can do, and what a recipe becomes on it. Start with {@link nightreed.machine.Machine}.
 */
package nightreed.machine;
