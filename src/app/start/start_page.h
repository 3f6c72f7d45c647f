#pragma once

#include <QWidget>

#include "app/safekeeping.h"

class QAction;
class QGridLayout;
class QLabel;
class QMimeData;
class QVBoxLayout;

namespace rim::app {

/// What the window shows while nothing is open: ways to begin, what was opened before, and the demos. Files, pictures
/// and drawings can be dropped on it.
class StartPage : public QWidget {
  Q_OBJECT

 public:
  /// A demo that ships: the name of its file, and what it shows.
  struct Demo {
    QString file;
    QString title;
  };

  /// `ways`: actions to begin with, the usual one first.
  StartPage(const QList<QAction*>& ways, const QList<Demo>& demos, QWidget* parent = nullptr);

  /// The files that were opened before, newest first; those that are gone are left out.
  void showRecent(const QStringList& files);
  /// Work that was left unsaved; the newest first.
  void showLeft(const QList<LeftWork>& works);
  /// Where a sentence can stand above everything else.
  QVBoxLayout* column() { return column_; }

 signals:
  void fileChosen(const QString& file);
  void demoChosen(const QString& name);
  void broughtBack(const rim::app::LeftWork& work);
  void letGo(const rim::app::LeftWork& work);
  void dropped(const QMimeData* data);

 protected:
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  QVBoxLayout* column_;
  QWidget* leftPart_;
  QLabel* recentHeading_;
  QLabel* noRecent_;
  QGridLayout* recent_;
};

}  // namespace rim::app
