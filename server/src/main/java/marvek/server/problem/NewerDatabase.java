package marvek.server.problem;

import org.flywaydb.core.api.exception.FlywayValidateException;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Says why a server does not start on a database that another version has made. */
class NewerDatabase extends AbstractFailureAnalyzer<FlywayValidateException> {
  @Override
  protected @Nullable FailureAnalysis analyze(Throwable root, FlywayValidateException cause) {
    return new FailureAnalysis(
        "The database was made or changed by another version of Marvek: " + cause.getMessage(),
        "Start the version that made it, or a newer one. To go back, restore a backup that this"
            + " version made.",
        cause);
  }
}
