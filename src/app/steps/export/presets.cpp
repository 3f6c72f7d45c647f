#include "app/steps/export/presets.h"

#include <QCoreApplication>
#include <QSettings>
#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/job/file_wish_json.h"

namespace rim::app {
namespace {

constexpr char kOwn[] = "presets";
constexpr char kLast[] = "fileWish";

QString text(const char* source) { return QCoreApplication::translate("Presets", source); }

QString jsonText(const job::FileWish& wish) { return QString::fromStdString(io::toJson(wish).dump()); }

std::optional<job::FileWish> wishOf(const QString& json) {
  try {
    constexpr bool kThrow = false;
    return io::fileWishFrom(nlohmann::json::parse(json.toStdString(), nullptr, kThrow));
  } catch (const InputError&) {
    return std::nullopt;  // settings that somebody edited by hand
  }
}

/// What machines of each kind commonly take (common practice, no source).
QList<Preset> shipped() {
  job::FileWish laser{job::FileFormat::Svg, {}, false};
  laser.settings.curves = CurveForm::Beziers;
  laser.settings.filled = false;
  laser.settings.marginMm = 0;
  laser.cutterMm = 0.2;
  job::FileWish router{job::FileFormat::Dxf2000, {}, false};
  router.settings.curves = CurveForm::Arcs;
  router.settings.origin = job::OriginAt::LowerLeft;
  router.cutterMm = 3;
  job::FileWish plasma = router;
  plasma.cutterMm = 1.5;
  plasma.format = job::FileFormat::DxfR12;
  job::FileWish sketch{job::FileFormat::Dxf2000, {}, false};
  sketch.settings.curves = CurveForm::Arcs;
  sketch.settings.origin = job::OriginAt::Centre;
  return {{text("Laser cutter"), laser, false},
          {text("Router"), router, false},
          {text("Plasma table"), plasma, false},
          {text("CAD sketch"), sketch, false}};
}

}  // namespace

QList<Preset> presets() {
  QList<Preset> all = shipped();
  QSettings settings;
  settings.beginGroup(kOwn);
  for (const QString& key : settings.childKeys()) {
    const QString name = QString::fromUtf8(QByteArray::fromHex(key.toLatin1()));
    if (const auto wish = wishOf(settings.value(key).toString()); wish && !name.isEmpty())
      all.append({name, *wish, true});
  }
  std::stable_sort(all.begin(), all.end(), [](const Preset& a, const Preset& b) {
    return a.own != b.own ? b.own : a.own && a.name.localeAwareCompare(b.name) < 0;
  });
  return all;
}

bool keepPreset(const QString& name, const job::FileWish& wish) {
  const QString own = name.trimmed();
  const QList<Preset> ours = shipped();
  const bool taken = std::any_of(ours.begin(), ours.end(), [&own](const Preset& p) { return p.name == own; });
  if (own.isEmpty() || taken) return false;
  QSettings settings;
  settings.beginGroup(kOwn);
  // A name may hold what a key may not.
  settings.setValue(QString::fromLatin1(own.toUtf8().toHex()), jsonText(wish));
  return true;
}

void dropPreset(const QString& name) {
  QSettings settings;
  settings.beginGroup(kOwn);
  settings.remove(QString::fromLatin1(name.toUtf8().toHex()));
}

job::FileWish lastFileWish() { return wishOf(QSettings().value(kLast).toString()).value_or(job::FileWish{}); }

void rememberFileWish(const job::FileWish& wish) { QSettings().setValue(kLast, jsonText(wish)); }

}  // namespace rim::app
