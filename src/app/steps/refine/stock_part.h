#pragma once

#include <QWidget>
#include <functional>
#include <optional>

#include "app/preferences.h"
#include "core/job/stock.h"

class QCheckBox;

namespace rim::app {

class Fold;

class LengthField;

/// Asks for the sheet that is cut from: how large it is, and where it lies under the outlines.
class StockPart : public QWidget {
  Q_OBJECT

 public:
  explicit StockPart(QWidget* parent = nullptr);

  /// Shows a stock, or that there is none; `outlines`: the box round them, mm.
  void show(const std::optional<job::Stock>& stock, const Box& outlines, Unit unit);

 signals:
  /// None: there is no stock any more.
  void wished(const std::optional<rim::job::Stock>& stock);
  /// What is chosen, or everything, shall come to the stock's middle.
  void centreWanted();
  void refused(const QString& sentence);

 private:
  LengthField* field(const char* name, double leastMm, const std::function<void(job::Stock&, double)>& set);
  LengthField* sizeField(const char* name, double job::Stock::*size);
  LengthField* placeField(const char* name, double Point::*place);
  /// A stock of this size with the outlines in its middle.
  job::Stock round(double widthMm, double heightMm) const;

  std::optional<job::Stock> stock_;
  Box outlines_;
  Fold* fold_;
  QCheckBox* has_;
  QWidget* rest_;
  LengthField* width_;
  LengthField* height_;
  LengthField* left_;
  LengthField* below_;
};

}  // namespace rim::app
