#pragma once

#include <QWidget>

class QAction;
class QLabel;

namespace rim::app {

class Session;

/// The Picture step: what is open, how large it is, and ways to open another one.
class PicturePanel : public QWidget {
  Q_OBJECT

 public:
  PicturePanel(QAction* open, QAction* paste, QWidget* parent = nullptr);
  void show(const Session& session);

  /// "320 × 320 px", the state line of the step.
  static QString stateLine(const Session& session);

 private:
  QLabel* name_;
  QLabel* pixels_;
  QLabel* resolution_;
};

}  // namespace rim::app
