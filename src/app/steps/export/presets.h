#pragma once

#include <QList>
#include <QString>

#include "core/job/file_wish.h"

namespace rim::app {

/// A way to write files that has a name.
struct Preset {
  QString name;
  job::FileWish wish;
  bool own = false;  ///< kept by the person, who may drop it
};

/// For laser, router, plasma and a CAD sketch; then those that the person kept, by name.
QList<Preset> presets();

/// Keeps a wish under a name; one of that name is replaced. False: the name is empty, or one that ships.
bool keepPreset(const QString& name, const job::FileWish& wish);
void dropPreset(const QString& name);

/// The wish that was used last, for the next job.
job::FileWish lastFileWish();
void rememberFileWish(const job::FileWish& wish);

}  // namespace rim::app
