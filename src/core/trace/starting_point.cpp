#include "core/trace/starting_point.h"

namespace rim::trace {

TraceSettings settingsFor(StartingPoint kind, const TraceSettings& now) {
  TraceSettings settings;
  settings.lightIsInk = now.lightIsInk;
  settings.rules = now.rules;
  switch (kind) {
    case StartingPoint::CrispArtwork:
      settings.tolerancePx = 0.25;
      settings.cornerReadiness = 55;
      settings.minAreaPx2 = 4;
      break;
    case StartingPoint::SmallWebPicture:
      settings.tolerancePx = 0.35;
      settings.cornerReadiness = 50;
      settings.minAreaPx2 = 6;
      break;
    case StartingPoint::InkOnPaper:
      settings.tolerancePx = 0.6;
      settings.cornerReadiness = 40;
      settings.minAreaPx2 = 20;
      break;
    case StartingPoint::PhonePhoto:
      settings.tolerancePx = 0.8;
      settings.cornerReadiness = 45;
      settings.minAreaPx2 = 40;
      break;
  }
  return settings;
}

}  // namespace rim::trace
