// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/log/table_preview.h"
#include "app/parts/prompts.h"

#include <QWidget>

#include <functional>
#include <string>

namespace inchpeg::app
{

/// A kind of table that the log is written to and taken from.
struct TableKind {
    const char *key = ""; ///< ends the object names of the buttons, "openLog…" and "saveLog…"
    QString ofWhat;       ///< "of measurements"
    QString fileName;     ///< that is offered
    std::function<std::optional<Preview>(ProjectSession &session, const QString &text)> preview;
    std::function<std::string(const Study &study)> write;
};

/// Two buttons: a table in, after a preview of what it would change; a table out.
class TableButtons : public QWidget
{
    Q_OBJECT
public:
    TableButtons(ProjectSession &session, Prompts &prompts, TableKind kind, QWidget *parent = nullptr);
    /// Shows what taking a text would change, and takes it once the person says so.
    void preview(const QString &text);

signals:
    /// A value of this piece was taken.
    void taken(inchpeg::PieceId piece);

private:
    void open();
    void save();

    ProjectSession &m_session;
    Prompts &m_prompts;
    TableKind m_kind;
    TablePreview *m_preview = nullptr;
};

} // namespace inchpeg::app
