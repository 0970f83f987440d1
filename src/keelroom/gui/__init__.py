"""The window: the only place that knows Qt."""

import gc

# Thousands of lasting objects are made on the way to the first window; looking for garbage among them costs a
# fifth of the start. `app.run` sets them aside, and `tidying` collects from then on.
gc.disable()
