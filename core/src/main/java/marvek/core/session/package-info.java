/**
 * What belongs to a session on the track: for now, whether what was changed for it kept what it
 * promised ({@link marvek.core.session.Promise}).
 */
package marvek.core.session;
