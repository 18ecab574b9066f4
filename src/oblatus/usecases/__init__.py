"""One verb a file: each checks, acts in one transaction, and is told who acts."""
