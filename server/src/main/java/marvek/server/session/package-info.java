/** What was driven when: the runs of a reference with their files, laps and days on one page. */
package marvek.server.session;
