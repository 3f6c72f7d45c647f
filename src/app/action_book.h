#pragma once

#include <QAction>
#include <QKeySequence>
#include <QList>
#include <optional>

namespace rim::app {

enum class Step;

/// Where keys work: in one step, or everywhere.
using Where = std::optional<Step>;
constexpr Where kEverywhere = std::nullopt;

/// The book of all actions and of their keys: it finds keys that say two things at once, keeps a step's single letters
/// to that step, so that another can use them again, and prints the page of keys.
class ActionBook {
 public:
  /// Actions belong to `owner`, which must outlive the book.
  explicit ActionBook(QObject* owner) : owner_(owner) {}

  /// A step with its name, for the page of keys; in the order in which the steps follow each other.
  void addStep(Step step, const QString& name) { steps_.append({step, name}); }

  /// An action with a tooltip that names its first key; `keys` work there.
  QAction* add(Where where, const QString& name, const QString& tip, const QList<QKeySequence>& keys = {});
  /// The same for something that is on or off.
  QAction* addCheckable(Where where, const QString& name, const QString& tip, const QList<QKeySequence>& keys = {});

  /// Notes keys that no action stands for: what is held, or moves something on the bench.
  void note(Where where, const QString& keys, const QString& does) { notes_.append({where, keys, does}); }

  /// The step that is worked in: keys of the others without Ctrl or Alt sleep.
  void enter(Step step);

  /// A sentence for every key that two actions share which can both be reached from one step.
  QStringList clashes() const;

  /// The page of keys: a table for what works everywhere and one for each step, the one that is entered first.
  QString page() const;

 private:
  struct StepName {
    Step step;
    QString name;
  };
  struct Entry {
    Where where;
    QAction* action;
    QList<QKeySequence> keys;
    QString tip;
  };
  struct Note {
    Where where;
    QString keys;
    QString does;
  };
  /// Gives an action the keys that work in the step that is entered.
  void wake(const Entry& entry) const;
  QString rowsOf(Where where) const;

  QObject* owner_;
  QList<StepName> steps_;
  QList<Entry> entries_;
  QList<Note> notes_;
  Where entered_;
};

/// One key, for add().
inline QList<QKeySequence> onKey(const char* name) { return {QKeySequence(QString::fromLatin1(name))}; }

/// Enables the action, or disables it and lets its tooltip say why.
void allow(QAction* action, bool allowed, const QString& whyNot);

}  // namespace rim::app
