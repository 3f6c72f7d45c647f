#pragma once

#include <QScrollArea>

namespace rim::app {

/// Scrolls a panel up and down when it is higher than its room. Texts that wrap need more height
/// the narrower they are, which a scroll area does not ask for by itself.
class PanelScroll : public QScrollArea {
  Q_OBJECT

 public:
  explicit PanelScroll(QWidget* panel, QWidget* parent = nullptr);

 protected:
  void resizeEvent(QResizeEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void giveHeight();
};

}  // namespace rim::app
