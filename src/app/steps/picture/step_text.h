#pragma once

#include <QString>
#include <optional>

#include "core/picture/preparation.h"

namespace rim::app {

/// What a line in the list of what was done is called.
QString stepName(const picture::Preparation& what);

/// The number by which a step is adjusted, with its range.
struct StepNumber {
  double value, low, high, step;
  int decimals;
  QString unit;
  QString zeroMeans;  ///< shown in place of the lowest value; empty: the number itself
};

/// Nothing for steps without a number.
std::optional<StepNumber> numberOf(const picture::Preparation& what);
picture::Preparation withNumber(const picture::Preparation& what, double value);

/// "X,Y,W,H" of a crop, and back; nothing when it is not four whole numbers.
QString cropText(const picture::Crop& crop);
std::optional<picture::Crop> cropFrom(const QString& text);

}  // namespace rim::app
