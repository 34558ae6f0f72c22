/**
 * What belongs to a session on the track: the reference on its day ({@link
 * marvek.core.session.Today}), the machine, what to work on and to try, and whether what was
 * changed kept what it promised ({@link marvek.core.session.Promise}).
 */
package marvek.core.session;
