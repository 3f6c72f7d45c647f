#pragma once

#include <QFrame>

class QLabel;
class QProgressBar;
class QTimer;

namespace rim::app {

/// Says what is being done beside the window, how far it is, and lets it be stopped. It shows
/// itself only when the work takes longer than a fifth of a second.
class BusyLine : public QFrame {
  Q_OBJECT

 public:
  explicit BusyLine(QWidget* parent = nullptr);
  /// `what` empty: nothing runs. `done` 0..1, or below 0 when it cannot be known.
  void report(const QString& what, double done);

 signals:
  void cancelled();

 private:
  QLabel* label_;
  QProgressBar* bar_;
  QTimer* delay_;
};

}  // namespace rim::app
