#pragma once

#include <QAction>
#include <QKeySequence>
#include <QList>

namespace rim::app {

/// Where keys work: in every step, or in one only. In the order of MainWindow::Step after the first.
enum class Room { Everywhere, Picture, Colours, Trace, Mend, Refine, Export };

/// The book of all actions and of their keys: it finds keys that say two things at once, keeps a step's single letters
/// to that step, so that another can use them again, and prints the page of keys.
class ActionBook {
 public:
  /// Actions belong to `owner`, which must outlive the book.
  explicit ActionBook(QObject* owner) : owner_(owner) {}

  /// An action with a tooltip that names its first key; `keys` work in that step.
  QAction* add(Room room, const QString& name, const QString& tip, const QList<QKeySequence>& keys = {});

  /// Notes keys that no action stands for: what is held, or moves something on the bench.
  void note(Room room, const QString& keys, const QString& does) { notes_.append({room, keys, does}); }

  /// The step that is worked in: keys of the others without Ctrl or Alt sleep.
  void enter(Room room);

  /// A sentence for every key that two actions share which can both be reached from one step.
  QStringList clashes() const;

  /// The page of keys: a table for what works everywhere and one for each step, the one that is entered first.
  QString page() const;

 private:
  struct Entry {
    Room room;
    QAction* action;
    QList<QKeySequence> keys;
    QString tip;
  };
  struct Note {
    Room room;
    QString keys;
    QString does;
  };
  /// Gives an action the keys that work in the step that is entered.
  void wake(const Entry& entry) const;
  QString rowsOf(Room room) const;

  QObject* owner_;
  QList<Entry> entries_;
  QList<Note> notes_;
  Room entered_ = Room::Everywhere;
};

/// Enables the action, or disables it and lets its tooltip say why.
void allow(QAction* action, bool allowed, const QString& whyNot);

}  // namespace rim::app
