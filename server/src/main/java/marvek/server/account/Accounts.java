package marvek.server.account;

import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

/** Accounts by id and address. */
public interface Accounts extends JpaRepository<Account, UUID> {
  Optional<Account> findByEmail(String email);
}
