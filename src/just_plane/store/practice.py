"""Results of practice, kept as they were."""

from just_plane.store.connection import statement


class Practice:
    """The results of one database."""

    def __init__(self, database):
        self.database = database

    def add(self, result_id, kind, result_json, at):
        """Keep a result."""
        with self.database.write() as connection:
            values = {"result_id": result_id, "kind": kind, "result_json": result_json, "at": at}
            connection.execute(statement("practice_insert"), values)

    def list(self, most=500):
        """The last results, the oldest first: list of JSON texts."""
        with self.database.read() as connection:
            return [row["result_json"] for row in connection.execute(statement("practice_list"), {"most": most})]
