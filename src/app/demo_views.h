#pragma once

#include <QHash>
#include <QString>
#include <functional>

namespace rim::app {

class MainWindow;

/// What brings the window, with the demo's work of a view open in it, to the view of each name.
const QHash<QString, std::function<void(MainWindow&)>>& demoViews();

/// The file of the demo that is open in a view.
QString demoOf(const QString& view);

/// Goes through events until something holds, a minute at most; whether it does.
bool waitFor(const std::function<bool()>& done);

}  // namespace rim::app
