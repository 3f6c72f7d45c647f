#pragma once

#include <QString>
#include <optional>

#include "app/preferences.h"

namespace rim::app {

using rim::kMmPerInch;

/// The length in mm that a person typed: "120", "120,5", "4 in", "4.5\"", "3 1/2 in", "80mm",
/// "2.5 cm". A bare number is in `unit`. Nothing when it is not a length.
std::optional<double> millimetresFrom(const QString& text, Unit unit);

/// The number to show, without the unit: up to 3 decimals in mm (a micrometre), 5 in inches
/// (a quarter of a micrometre), without needless zeros.
QString lengthText(double millimetres, Unit unit);

/// The same with the unit behind it.
QString lengthWithUnit(double millimetres, Unit unit);

QString unitName(Unit unit);

}  // namespace rim::app
