/**
 * References: the working copy, revisions, drafts and copies, computing anew, remarks of coaches.
 * {@code References} is the service that others ask.
 */
package marvek.server.reference;
