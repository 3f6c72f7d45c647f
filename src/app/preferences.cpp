#include "app/preferences.h"

#include <QSettings>
#include <algorithm>

namespace rim::app {

Preferences loadPreferences() {
  const QSettings settings;
  Preferences p;
  p.unit = settings.value("unit").toString() == "in" ? Unit::Inch : Unit::Millimetre;
  const QString appearance = settings.value("appearance").toString();
  if (appearance == "light") p.appearance = Appearance::Light;
  if (appearance == "dark") p.appearance = Appearance::Dark;
  bool isNumber = false;
  const double strength = settings.value("pictureStrength").toDouble(&isNumber);
  if (isNumber) p.pictureStrength = std::clamp(strength, 0.0, 1.0);
  const double nudge = settings.value("nudgeMm").toDouble(&isNumber);
  if (isNumber && nudge >= Preferences::kLeastNudgeMm && nudge <= Preferences::kMostNudgeMm) p.nudgeMm = nudge;
  p.opensInInks = settings.value("opensInInks", p.opensInInks).toBool();
  p.nodes = settings.value("nodes", p.nodes).toBool();
  p.rulers = settings.value("rulers", p.rulers).toBool();
  const double grid = settings.value("gridMm").toDouble(&isNumber);
  if (isNumber && grid >= 0 && grid <= Preferences::kMostGridMm) p.gridMm = grid;
  p.recentFiles = settings.value("recentFiles").toStringList().mid(0, Preferences::kMostRecent);
  p.pictureFolder = settings.value("pictureFolder").toString();
  p.exportFolder = settings.value("exportFolder").toString();
  p.windowGeometry = settings.value("windowGeometry").toByteArray();
  return p;
}

void savePreferences(const Preferences& p) {
  QSettings settings;
  settings.setValue("unit", p.unit == Unit::Inch ? "in" : "mm");
  const char* names[] = {"system", "light", "dark"};
  settings.setValue("appearance", names[static_cast<int>(p.appearance)]);
  settings.setValue("pictureStrength", p.pictureStrength);
  settings.setValue("nudgeMm", p.nudgeMm);
  settings.setValue("opensInInks", p.opensInInks);
  settings.setValue("nodes", p.nodes);
  settings.setValue("rulers", p.rulers);
  settings.setValue("gridMm", p.gridMm);
  settings.setValue("recentFiles", p.recentFiles);
  settings.setValue("pictureFolder", p.pictureFolder);
  settings.setValue("exportFolder", p.exportFolder);
  settings.setValue("windowGeometry", p.windowGeometry);
}

QStringList withRecentFile(QStringList files, const QString& file) {
  files.removeAll(file);
  files.prepend(file);
  return files.mid(0, Preferences::kMostRecent);
}

}  // namespace rim::app
