#pragma once

#include <QStringList>

#include "core/geometry/units.h"

namespace rim::app {

using rim::Unit;
enum class Appearance { System, Light, Dark };

/// What the window remembers from one day to the next. Read and written as one value.
struct Preferences {
  Unit unit = Unit::Millimetre;
  Appearance appearance = Appearance::System;
  double pictureStrength = 0.55;  ///< 0..1
  bool opensInInks = true;        ///< coloured pictures are begun with several inks
  double nudgeMm = 0.1;           ///< a step of the arrow keys
  bool nodes = false;
  bool rulers = true;       ///< in the Refine step
  double gridMm = 0;        ///< from line to line; 0: no grid
  QStringList recentFiles;  ///< newest first, at most kMostRecent
  QString pictureFolder;
  QString exportFolder;
  QByteArray windowGeometry;

  static constexpr qsizetype kMostRecent = 8;
  static constexpr double kLeastNudgeMm = 0.001;
  static constexpr double kMostNudgeMm = 100;
  static constexpr double kMostGridMm = 1000;
};

/// From the user's settings file; what is missing or makes no sense there has its default.
Preferences loadPreferences();
void savePreferences(const Preferences& preferences);

/// The list with `file` put first and not twice.
QStringList withRecentFile(QStringList files, const QString& file);

}  // namespace rim::app
