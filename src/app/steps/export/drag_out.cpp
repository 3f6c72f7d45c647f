#include "app/steps/export/drag_out.h"

#include <QApplication>
#include <QDrag>
#include <QFileInfo>
#include <QMimeData>
#include <QMouseEvent>
#include <QUrl>

#include "app/session.h"
#include "app/steps/export/presets.h"
#include "app/widgets/svg_mime.h"
#include "core/io/deliver.h"

namespace rim::app {

QByteArray svgOf(const Session& session) {
  const job::FileWish wish = session.job().file.value_or(lastFileWish());
  return QByteArray::fromStdString(io::svgTextOf(session.job(), io::settingsFor(wish)));
}

DragOut::DragOut(const Session& session, QWidget* parent) : QLabel(parent), session_(session) {
  setText(tr("⠿  Drag it out of the window"));
  setObjectName("dragOut");
  setProperty("role", "grip");
  setToolTip(tr("Into a folder, a mail or another program, as the file that is set above"));
  setCursor(Qt::OpenHandCursor);
  setAlignment(Qt::AlignCenter);
}

QMimeData* DragOut::content() {
  if (!session_.hasWork() || !session_.upToDate()) return nullptr;
  const job::FileWish wish = session_.job().file.value_or(lastFileWish());
  const QString base = QFileInfo(QString::fromStdString(session_.job().original.name)).completeBaseName();
  const QString file =
      folder_.filePath((base.isEmpty() ? tr("outlines") : base) + QString::fromStdString(io::endingFor(wish.format)));
  const auto written = outcomeOf([&] {
    return io::deliverJob(session_.job(), file.toStdString(), io::settingsFor(wish), {wish.fileEach, {}});
  });
  if (!written.trouble.isEmpty()) {
    emit refused(tr("Nothing can be dragged out: %1").arg(written.trouble));
    return nullptr;
  }
  QList<QUrl> urls;
  for (const io::Delivered& one : written.result)
    urls << QUrl::fromLocalFile(QString::fromStdString(one.file.string()));
  QMimeData* content = svgContent(svgOf(session_));
  content->setUrls(urls);
  return content;
}

void DragOut::mousePressEvent(QMouseEvent* event) { pressed_ = event->pos(); }

void DragOut::mouseMoveEvent(QMouseEvent* event) {
  const bool far = (event->pos() - pressed_).manhattanLength() >= QApplication::startDragDistance();
  if ((event->buttons() & Qt::LeftButton) == 0 || !far) return;
  QMimeData* what = content();
  if (what == nullptr) return;
  auto* drag = new QDrag(this);
  drag->setMimeData(what);
  drag->exec(Qt::CopyAction);
}

}  // namespace rim::app
