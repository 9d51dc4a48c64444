export { CALCULATIONS, DEFAULT_SETTINGS, parseWith, RESOURCES } from '@schmelz/contract';
export { jsonSchema as jsonSchemaOf } from '@schmelz/contract/openapi';
