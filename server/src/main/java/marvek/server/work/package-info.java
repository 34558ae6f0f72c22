/** Heavy work in a bounded queue, one at a time for each account, with progress and cancel. */
package marvek.server.work;
