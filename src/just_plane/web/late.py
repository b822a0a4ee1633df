"""Blueprints whose OpenAPI schemas are made when the document is first asked for, not when the program starts.

Making the schemas of every route takes longer than everything else a start does, and hardly anybody asks for them.
"""

from flask_openapi3 import APIBlueprint
from flask_openapi3.utils import parse_parameters


class LateBlueprint(APIBlueprint):
    """An APIBlueprint that remembers what its routes say of themselves and tells it when asked."""

    def __init__(self, *args, **options):
        super().__init__(*args, **options)
        self._untold = []

    def _collect_openapi_info(self, rule, func, **said):
        self._untold.append((rule, func, said))
        return parse_parameters(func, doc_ui=False)

    def tell(self, app):
        """Put the schemas of all routes into an application's document (OpenAPI); once, however often it is asked."""
        while self._untold:
            rule, func, said = self._untold[0]
            super()._collect_openapi_info(rule, func, **said)
            self._untold.pop(0)
        for tag in self.tags:
            if tag.name not in app.tag_names:
                app.tags.append(tag)
                app.tag_names.append(tag.name)
        app.paths.update(**self.paths)
        app.components_schemas.update(**self.components_schemas)
