"""HTTP: one blueprint a resource. A view parses, calls one service and returns a Public model."""
