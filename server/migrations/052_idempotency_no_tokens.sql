DELETE FROM idempotency WHERE response LIKE '%"token"%'
