#include "app/widgets/length_text.h"

#include <QRegularExpression>
#include <cmath>

namespace rim::app {
namespace {

std::optional<double> unitFactor(const QString& name, Unit unit) {
  if (name.isEmpty()) return unit == Unit::Inch ? kMmPerInch : 1.0;
  if (name == "mm") return 1.0;
  if (name == "cm") return 10.0;
  if (name == "m") return 1000.0;
  if (name == "in" || name == "inch" || name == "inches" || name == "\"" || name == "\u2033") return kMmPerInch;
  return std::nullopt;
}

}  // namespace

std::optional<double> millimetresFrom(const QString& text, Unit unit) {
  static const QRegularExpression form(
      R"(^\s*(?:(\d+)\s+)?(?:(\d+)\s*/\s*(\d+)|(\d*[.,]?\d+|\d+[.,]))\s*([a-z"″]*)\s*$)",
      QRegularExpression::CaseInsensitiveOption | QRegularExpression::UseUnicodePropertiesOption);
  const QRegularExpressionMatch match = form.match(text);
  if (!match.hasMatch()) return std::nullopt;
  const auto factor = unitFactor(match.captured(5).toLower(), unit);
  if (!factor) return std::nullopt;
  const QString whole = match.captured(1);
  double value = 0;
  if (match.hasCaptured(2) && !match.captured(2).isEmpty()) {
    const double below = match.captured(3).toDouble();
    if (below == 0) return std::nullopt;
    value = match.captured(2).toDouble() / below + (whole.isEmpty() ? 0 : whole.toDouble());
  } else {
    if (!whole.isEmpty()) return std::nullopt;  // "12 5" is no number
    value = QString(match.captured(4)).replace(',', '.').toDouble();
  }
  const double millimetres = value * *factor;
  if (!std::isfinite(millimetres)) return std::nullopt;
  return millimetres;
}

QString lengthText(double millimetres, Unit unit) {
  const bool inch = unit == Unit::Inch;
  QString text = QString::number(inch ? millimetres / kMmPerInch : millimetres, 'f', inch ? 5 : 3);
  while (text.endsWith('0')) text.chop(1);
  if (text.endsWith('.')) text.chop(1);
  return text;
}

QString lengthWithUnit(double millimetres, Unit unit) { return lengthText(millimetres, unit) + " " + unitName(unit); }

QString unitName(Unit unit) { return unit == Unit::Inch ? QStringLiteral("in") : QStringLiteral("mm"); }

}  // namespace rim::app
