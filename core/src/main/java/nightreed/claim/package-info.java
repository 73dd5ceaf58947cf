/**
 * What was heard or read about a sound, put to the test. Start with {@link nightreed.claim.ClaimJudge}: it holds a {@link nightreed.claim.Claim}
 * against its named rivals on a recording.
 */
package nightreed.claim;
