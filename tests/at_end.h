#pragma once

#include <functional>
#include <vector>

/// What is to be put away after the last test and before the program's own statics go: the QApplication.
std::vector<std::function<void()>>& atEnd();
