package marvek.server.problem;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.UncategorizedSQLException;
import org.springframework.orm.jpa.JpaSystemException;
import org.springframework.transaction.TransactionSystemException;

/** What a database that is gone looks like, and what does not. */
class DatabaseGoneTest {
  /** PostgreSQL 15, appendix A: admin_shutdown. */
  private static final SQLException ENDED =
      new SQLException("FATAL: terminating connection due to administrator command", "57P01");

  /** What HikariCP 6 throws for a connection that it has shut after a failure. */
  private static final SQLException SHUT = new SQLException("Connection is closed");

  @Test
  void aConnectionThatIsEndedWhileInUse() {
    assertThat(DatabaseGone.in(new RuntimeException(ENDED))).isTrue();
    assertThat(DatabaseGone.in(new SQLTransientConnectionException("timed out"))).isTrue();
    assertThat(DatabaseGone.in(new RuntimeException(new SQLException("lost", "08006")))).isTrue();
  }

  /** The statement fails, the pool shuts the connection, and taking back finds it shut. */
  @Test
  void takingBackOnAConnectionThatIsShut() {
    TransactionSystemException twice = new TransactionSystemException("JDBC rollback failed", SHUT);
    assertThat(DatabaseGone.in(twice)).isTrue();
    assertThat(DatabaseGone.in(new JpaSystemException(new RuntimeException(SHUT)))).isTrue();
    TransactionSystemException other =
        new TransactionSystemException("rollback failed", new IllegalStateException("twice"));
    other.initApplicationException(new UncategorizedSQLException("read", "select 1", ENDED));
    assertThat(DatabaseGone.in(other)).as("what failed first").isTrue();
  }

  @Test
  void whatIsWrongWithARequestIsNoGoneDatabase() {
    assertThat(DatabaseGone.in(null)).isFalse();
    assertThat(DatabaseGone.in(new IllegalStateException("Connection is closed"))).isFalse();
    assertThat(DatabaseGone.in(new SQLException("duplicate key", "23505"))).isFalse();
    assertThat(DatabaseGone.in(new SQLException("unknown"))).isFalse();
    assertThat(
            DatabaseGone.in(
                new TransactionSystemException("commit failed", new SQLException("x", "40001"))))
        .isFalse();
  }
}
