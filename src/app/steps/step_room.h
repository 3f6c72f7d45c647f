#pragma once

#include <QList>
#include <QObject>
#include <memory>
#include <set>

#include "app/action_book.h"
#include "core/drawing/drawing.h"
#include "core/job/job.h"

class QMenu;
class QMimeData;

namespace rim::app {

class Bench;
class Session;
struct Actions;
struct Preferences;

/// What rooms ask of each other and of the window, without knowing who does it.
class Exchange : public QObject {
  Q_OBJECT

 public:
  using QObject::QObject;

 signals:
  void stepWanted(rim::app::Step step);
  /// A sentence for the person: something was done, or something could not be.
  void told(const QString& sentence);
  void warned(const QString& sentence);
  /// What job card and gauge show has changed, while the job has not.
  void measuresChanged();
  /// The outlines shall have that size, mm.
  void sizeWanted(rim::job::SizeWish::Of of, double millimetres);
  /// These outlines alone shall be written to a file.
  void exportWanted(const std::set<rim::OutlineId>& only);
  /// Outlines of an SVG are to come into the drawing, at a place, upright px.
  void pieceWanted(const QByteArray& svg, rim::Point place);
};

/// What a room works with; all of it outlives the room.
struct Workplace {
  Session& session;
  Bench& bench;
  ActionBook& book;
  Actions& actions;  ///< that belong to no step
  Preferences& preferences;
  Exchange& exchange;
  QWidget& window;  ///< over which dialogues lie
};

/// What the job card says of a step.
struct CardLine {
  QString text;
  bool done = false;
};

/// A step of the work as the window sees it. Each has a folder under steps/ that owns its panel, its actions with their
/// keys, its menu, its line on the job card, and its layers and tools on the bench; the list of them is steps/rooms.h.
class StepRoom : public QObject {
  Q_OBJECT

 public:
  /// `title`: with the mnemonic of its menu.
  StepRoom(const Workplace& at, Step step, const QString& title, const QString& tip);

  Step step() const { return step_; }
  const QString& title() const { return title_; }
  QString name() const { return QString(title_).remove('&'); }
  const QString& tip() const { return tip_; }

  virtual QWidget* panel() = 0;
  virtual void fillMenu(QMenu& menu) = 0;
  /// What of its actions stands in the menus for files and for editing, too.
  virtual QList<QAction*> forFileMenu() const { return {}; }
  virtual QList<QAction*> forEditMenu() const { return {}; }

  virtual CardLine cardLine() const = 0;
  /// Shows the job as it is now, and allows what can be done with it.
  virtual void show() = 0;
  /// The outlines that are on the bench while this step is worked in: at first those before refining.
  virtual std::shared_ptr<const Drawing> outlines(const job::Job& job) const;

  /// Puts away the tool in hand, or lets go of what it holds, as Esc asks; false: there was none.
  virtual bool putToolAway() { return false; }
  /// Takes what is on the clipboard; false: it is nothing for this step.
  virtual bool paste(const QMimeData* /*content*/) { return false; }

  /// Another step is worked in from now on, or this one.
  void workIn(Step step);

 protected:
  /// Another step is worked in.
  virtual void follow() {}
  bool isHere() const { return now_ == step_; }
  /// The step that is worked in; none before the first is.
  Where now() const { return now_; }
  /// Triggering one of these leads to this step.
  void leadHere(const QList<QAction*>& actions);
  /// Whether outlines of the job as it is are there, and any.
  bool hasOutlines() const;
  /// Why what needs a picture, or outlines, cannot be done.
  static QString needsPicture();
  QString needsOutlines() const;
  /// Looks at a place, upright px, from so near that `sightMm` of it are seen; farther off never than all.
  void lookAt(Point place, double sightMm);

  Workplace at_;

 private:
  Step step_;
  QString title_;
  QString tip_;
  Where now_;
};

}  // namespace rim::app
