"""PostgreSQL: tables, scoped repositories, migrations, and the project-local server."""
