// Nothing: a source for the targets that only compile shared headers (cmake/Layers.cmake).
