/**
 * What an account keeps: how much it may, what it has put into the basket, taking all of it along,
 * and leaving. Knows tables, not the features that they belong to; start at {@code Basket}.
 */
package marvek.server.keeping;
