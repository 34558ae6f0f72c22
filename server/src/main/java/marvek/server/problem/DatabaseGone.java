package marvek.server.problem;

import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLTransientConnectionException;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.transaction.TransactionSystemException;

/** Whether something failed because the database does not answer. */
final class DatabaseGone {
  static final Said WHAT = Said.of("refusal.database_gone.what");
  static final Said REMEDY = Said.of("refusal.database_gone.remedy");

  /** Seconds after which to ask again. */
  static final String AGAIN = "5";

  private DatabaseGone() {}

  static boolean in(@Nullable Throwable failure) {
    for (Throwable t = failure; t != null; t = t.getCause()) {
      if (t instanceof DataAccessResourceFailureException
          || t instanceof CannotCreateTransactionException
          || t instanceof SQLTransientConnectionException
          || t instanceof SQLNonTransientConnectionException
          || t instanceof SQLException sql && (lost(sql.getSQLState()) || closed(sql))) {
        return true;
      }
      // Where taking back fails too, what failed first says why.
      if (t instanceof TransactionSystemException twice && in(twice.getOriginalException())) {
        return true;
      }
    }
    return false;
  }

  /** The pool shuts a connection that has failed, and says so without a state. */
  private static boolean closed(SQLException e) {
    return e.getSQLState() == null && "Connection is closed".equals(e.getMessage());
  }

  /** SQLSTATE class 08, connection exception, and 57P, shutdown by an operator. */
  private static boolean lost(@Nullable String state) {
    return state != null && (state.startsWith("08") || state.startsWith("57P"));
  }
}
