#pragma once

#include <QString>
#include <QWidget>

class QLabel;
class QToolButton;
class QVBoxLayout;

namespace rim::app {

/// A part of a panel under a heading that folds it away and back, by a click or Space; whether it is open is
/// remembered. Beside the heading stands, in a word or two, what is in it.
class Fold : public QWidget {
  Q_OBJECT

 public:
  /// `name` names it in the settings and for tests; `open`: as long as nobody chose.
  Fold(const char* name, const QString& title, bool open, QWidget* parent = nullptr);

  /// Where what it holds goes.
  QVBoxLayout* inside() const { return inside_; }
  /// What stands beside the heading; empty: nothing.
  void setSummary(const QString& text);
  bool isOpen() const;
  /// Opens or folds it, and remembers that.
  void setOpen(bool open);

 private:
  void follow(bool open);

  QToolButton* heading_;
  QLabel* summary_;
  QWidget* content_;
  QVBoxLayout* inside_;
};

}  // namespace rim::app
