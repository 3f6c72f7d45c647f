#pragma once

#include <QImage>
#include <QString>

#include "core/job/job.h"

namespace rim::app {

/// The size of a thumbnail, px.
inline constexpr QSize kThumbnailSize{132, 96};

/// A small picture of a job: what it was opened from, or the outlines of a drawing, on the sheet's colour.
QImage thumbnailOf(const job::Job& job);

/// Thumbnails of files that were opened, kept in the user's cache folder under the files' whole names.
void saveThumbnail(const QString& file, const QImage& thumbnail);
/// Null when there is none.
QImage savedThumbnail(const QString& file);

}  // namespace rim::app
