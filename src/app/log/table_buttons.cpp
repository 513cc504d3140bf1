// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/table_buttons.h"

#include "app/parts/page_parts.h"
#include "core/import/text.h"
#include "disk/file_bytes.h"

namespace inchpeg::app
{

TableButtons::TableButtons(ProjectSession &session, Prompts &prompts, TableKind kind, QWidget *parent)
    : QWidget(parent), m_session(session), m_prompts(prompts), m_kind(std::move(kind))
{
    auto *open = button("", tr("Table in…"));
    open->setObjectName(QStringLiteral("openLog") + QLatin1String(m_kind.key));
    open->setToolTip(
        tr("Takes a table %1 from a file, after showing what it would change").arg(m_kind.ofWhat));
    auto *save = button("", tr("Table out…"));
    save->setObjectName(QStringLiteral("saveLog") + QLatin1String(m_kind.key));
    save->setToolTip(tr("Writes a table %1 as comma-separated text").arg(m_kind.ofWhat));
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(open);
    row->addWidget(save);
    connect(open, &QPushButton::clicked, this, &TableButtons::open);
    connect(save, &QPushButton::clicked, this, &TableButtons::save);
}

void TableButtons::preview(const QString &text)
{
    std::optional<Preview> preview = m_kind.preview(m_session, text);
    if (!preview)
        return;
    if (m_preview == nullptr) {
        m_preview = new TablePreview(m_session, this);
        connect(m_preview, &TablePreview::taken, this, &TableButtons::taken);
    }
    m_preview->show(std::move(*preview));
}

void TableButtons::open()
{
    const QString path = m_prompts.filePath(this, tr("Take a table %1").arg(m_kind.ofWhat),
                                            tr("Tables (*.csv *.tsv *.txt *.xlsx)"));
    if (path.isEmpty())
        return;
    const Result<std::string> bytes = readFileBytes(path.toStdString());
    if (!bytes) {
        m_session.tell(bytes.error());
        return;
    }
    const Result<DecodedText> text = decodeText(*bytes);
    if (!text)
        m_session.tell(badInput(fileNameOf(path.toStdString()) + ": " + text.error().message));
    else
        preview(QString::fromUtf8(text->utf8.data(), static_cast<qsizetype>(text->utf8.size())));
}

void TableButtons::save()
{
    const QString path = m_prompts.savePath(this, tr("Write a table %1").arg(m_kind.ofWhat), m_kind.fileName,
                                            tr("Comma-separated text (*.csv)"));
    if (!path.isEmpty())
        m_session.tell(writeFileBytes(path.toStdString(), m_kind.write(*m_session.study())));
}

} // namespace inchpeg::app
