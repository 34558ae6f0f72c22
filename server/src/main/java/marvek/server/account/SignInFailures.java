package marvek.server.account;

import java.time.Instant;
import org.springframework.data.jpa.repository.JpaRepository;

interface SignInFailures extends JpaRepository<SignInFailure, Long> {
  long countByEmailAndAtAfter(String email, Instant since);

  long countByAddressAndAtAfter(String address, Instant since);

  void deleteByEmail(String email);
}
