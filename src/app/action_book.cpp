#include "app/action_book.h"

#include <QCoreApplication>
#include <algorithm>

namespace rim::app {
namespace {

constexpr const char* kTip = "tip";

QString text(const char* source) { return QCoreApplication::translate("ActionBook", source); }

QString nameOf(Room room) {
  switch (room) {
    case Room::Picture:
      return text("In Picture");
    case Room::Colours:
      return text("In Colours");
    case Room::Trace:
      return text("In Trace");
    case Room::Mend:
      return text("In Mend");
    case Room::Refine:
      return text("In Refine");
    case Room::Export:
      return text("In Export");
    case Room::Everywhere:
      break;
  }
  return text("In every step");
}

/// A letter, digit or sign, alone or with Shift: a key that is scarce.
bool isSingle(const QKeySequence& keys) {
  return keys.count() == 1 && (keys[0].keyboardModifiers() & ~Qt::ShiftModifier) == Qt::NoModifier;
}

bool meet(Room a, Room b) { return a == b || a == Room::Everywhere || b == Room::Everywhere; }

QString textOf(const QList<QKeySequence>& keys) {
  QStringList texts;
  for (const QKeySequence& one : keys) texts << one.toString(QKeySequence::NativeText);
  return texts.join(text(" or "));
}

QString rowOf(const QString& keys, const QString& name, const QString& does) {
  return QString("<tr><td width=\"130\"><b>%1</b></td><td width=\"170\">%2</td><td>%3</td></tr>")
      .arg(keys.toHtmlEscaped(), name.toHtmlEscaped(), does.toHtmlEscaped());
}

/// As a menu shows it.
QString nameOf(const QAction& action) {
  return action.text().section(':', 0, 0).remove('&').remove(QStringLiteral("\u2026"));
}

}  // namespace

QAction* ActionBook::add(Room room, const QString& name, const QString& tip, const QList<QKeySequence>& keys) {
  auto* action = new QAction(name, owner_);
  QString whole = tip;
  if (!keys.isEmpty()) whole += " (" + keys.first().toString(QKeySequence::NativeText) + ")";
  action->setToolTip(whole);
  action->setStatusTip(tip);
  action->setProperty(kTip, whole);
  entries_.append({room, action, keys, tip});
  wake(entries_.last());
  return action;
}

void ActionBook::enter(Room room) {
  entered_ = room;
  for (const Entry& entry : entries_) wake(entry);
}

void ActionBook::wake(const Entry& entry) const {
  QList<QKeySequence> awake = entry.keys;
  if (entry.room != Room::Everywhere && entry.room != entered_) awake.removeIf(isSingle);
  if (entry.action->shortcuts() != awake) entry.action->setShortcuts(awake);
}

QStringList ActionBook::clashes() const {
  QStringList found;
  for (int i = 0; i < entries_.size(); ++i) {
    for (int j = i + 1; j < entries_.size(); ++j) {
      const Entry& a = entries_[i];
      const Entry& b = entries_[j];
      for (const QKeySequence& key : a.keys) {
        if (!b.keys.contains(key) || (isSingle(key) && !meet(a.room, b.room))) continue;
        found << QString("%1 means both \"%2\" and \"%3\"").arg(key.toString(), a.action->text(), b.action->text());
      }
    }
  }
  return found;
}

QString ActionBook::rowsOf(Room room) const {
  QString rows;
  for (const Entry& entry : entries_) {
    if (entry.room == room && !entry.keys.isEmpty())
      rows += rowOf(textOf(entry.keys), nameOf(*entry.action), entry.tip);
  }
  for (const Note& note : notes_) {
    if (note.room == room) rows += rowOf(note.keys, {}, note.does);
  }
  return rows;
}

QString ActionBook::page() const {
  QList<Room> rooms{Room::Picture, Room::Colours, Room::Trace,     Room::Mend,
                    Room::Refine,  Room::Export,  Room::Everywhere};
  std::stable_partition(rooms.begin(), rooms.end(), [this](Room room) { return room == entered_; });
  QString page;
  for (const Room room : rooms) {
    const QString rows = rowsOf(room);
    if (!rows.isEmpty()) page += "<h3>" + nameOf(room) + "</h3><table cellpadding=\"3\">" + rows + "</table>";
  }
  return page;
}

void allow(QAction* action, bool allowed, const QString& whyNot) {
  const QString tip = action->property(kTip).toString();
  action->setEnabled(allowed);
  action->setToolTip(allowed ? tip : tip + "\n" + whyNot);
}

}  // namespace rim::app
