#pragma once

#include <QStringList>

#include "app/preferences.h"
#include "core/job/job.h"

class QFileDialog;
class QWidget;

namespace rim::app {

class Session;

/// What files made of this job are called, without an ending.
QString baseNameOf(const job::Job& job);

/// Why no outlines can be written now; empty: they can be.
QString whyNotWritten(const Session& session);

/// Where files were written last, or the user's documents.
QString exportFolder(const Preferences& preferences);

/// The file that a dialogue names for saving, with one of the endings (the first, when it has none of them); empty
/// when it is left. Asks before a file is replaced.
QString chosenFile(QFileDialog& dialog, const QStringList& endings);

/// Asks over a window whether a file that is there may be replaced.
bool mayReplace(const QString& file, QWidget* over);

}  // namespace rim::app
