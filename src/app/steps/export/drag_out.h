#pragma once

#include <QLabel>
#include <QTemporaryDir>

class QMimeData;

namespace rim::app {

class Session;

/// A handle that the outlines are dragged out of the window by: into a folder, a mail, another program. What is dragged
/// is a file in the wished format, and SVG for those who take that from a clipboard.
class DragOut : public QLabel {
  Q_OBJECT

 public:
  explicit DragOut(const Session& session, QWidget* parent = nullptr);

  /// What a drag hands over; null when there is nothing, or it cannot be written (refused() says why). The caller owns
  /// it.
  QMimeData* content();

 signals:
  void refused(const QString& sentence);

 protected:
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;

 private:
  const Session& session_;
  QTemporaryDir folder_;  ///< of the files that were dragged; it goes with the window
  QPoint pressed_;
};

/// The job's outlines as the text of an SVG, as they lie in such a file.
QByteArray svgOf(const Session& session);

}  // namespace rim::app
