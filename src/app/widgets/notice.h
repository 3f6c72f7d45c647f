#pragma once

#include <QFrame>

class QLabel;
class QTimer;

namespace rim::app {

/// One sentence above the bench: what went wrong stays until it is dismissed, good news goes by
/// itself.
class Notice : public QFrame {
  Q_OBJECT

 public:
  explicit Notice(QWidget* parent = nullptr);
  void tell(const QString& sentence);
  void warn(const QString& sentence);
  QString sentence() const;

 private:
  void put(const QString& sentence, bool trouble);

  QLabel* label_;
  QTimer* timer_;
};

}  // namespace rim::app
