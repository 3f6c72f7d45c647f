#include "app/start/thumbnails.h"

#include <QCryptographicHash>
#include <QDir>
#include <QPainter>
#include <QStandardPaths>

#include "app/bench/outline_layer.h"
#include "app/bench/picture_layer.h"
#include "app/look.h"
#include "core/mend/find/aside.h"

namespace rim::app {
namespace {

constexpr double kRoomPx = 6;

QString placeFor(const QString& file) {
  const QString folder = QStandardPaths::writableLocation(QStandardPaths::CacheLocation) + "/thumbnails/";
  return folder + QCryptographicHash::hash(file.toUtf8(), QCryptographicHash::Sha1).toHex() + ".png";
}

Paths withoutStrays(const Paths& paths) {
  const std::vector<std::size_t> aside = mend::strays(paths);
  Paths rest;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    if (!std::binary_search(aside.begin(), aside.end(), p)) rest.push_back(paths[p]);
  }
  return rest;
}

}  // namespace

QImage thumbnailOf(const job::Job& job) {
  QImage image(kThumbnailSize, QImage::Format_RGB32);
  image.fill(look().sheet);
  QPainter painter(&image);
  painter.setRenderHint(QPainter::Antialiasing);
  const QRectF area = QRectF(QPointF(), kThumbnailSize).adjusted(kRoomPx, kRoomPx, -kRoomPx, -kRoomPx);
  const auto outlines = job::outlinesOf(job);
  Box box;
  if (job.drawing) {
    // A leftover far outside would make all else too small to be known again.
    if (outlines) box = boxOf(withoutStrays(pathsOf(*outlines)));
  } else if (!job.original.empty()) {
    box.include(Point{0, 0});
    box.include(Point{static_cast<double>(job.original.width()), static_cast<double>(job.original.height())});
  }
  if (box.empty()) return image;
  const Viewport viewport = Viewport::fitting(box, area);
  if (job.drawing) {
    OutlineLayer(*outlines).paint(painter, viewport, image.rect(), true);
  } else {
    PictureLayer picture;
    picture.setPicture(job.original);
    picture.paint(painter, viewport, image.rect(), 1);
  }
  return image;
}

void saveThumbnail(const QString& file, const QImage& thumbnail) {
  const QString place = placeFor(file);
  // A start page without this thumbnail is no trouble worth a sentence.
  if (QDir().mkpath(QFileInfo(place).absolutePath())) thumbnail.save(place);
}

QImage savedThumbnail(const QString& file) { return QImage(placeFor(file)); }

}  // namespace rim::app
