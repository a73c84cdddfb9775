"""SQLite through SQLModel: engine, tables, repositories, migrations. Knows no rule of the job."""
