#pragma once

#include <QLocale>
#include <QString>

namespace rim::app {

/// "1 outline" or "%1 outlines" with the number in it: the two texts are translated by the caller.
inline QString counted(std::size_t count, const QString& one, const QString& many) {
  return count == 1 ? one : many.arg(QLocale().toString(static_cast<qulonglong>(count)));
}

}  // namespace rim::app
