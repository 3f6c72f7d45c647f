#include "app/steps/refine/hand/typed_way.h"

#include <QStringList>
#include <cmath>

namespace rim::app {

std::optional<Point> typedWay(const QString& typed, Point way) {
  const QStringList parts = typed.split('<');
  const auto number = [](QString text, double& value) {
    bool isNumber = false;
    value = text.replace(',', '.').toDouble(&isNumber);
    return isNumber;
  };
  double size = 0;
  if (parts.size() > 2 || !number(parts[0], size) || !(size > 0)) return std::nullopt;
  double degrees = 0;
  if (parts.size() == 2) {
    if (!number(parts[1], degrees)) return std::nullopt;
    const double angle = degrees * M_PI / 180;
    return Point{std::cos(angle), std::sin(angle)} * size;
  }
  if (!(length(way) > 0)) return std::nullopt;
  return unit(way) * size;
}

}  // namespace rim::app
